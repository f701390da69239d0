import { serve } from '@/app/api/_handle/handle';
import { addAccount } from '@/server/use-cases/account/add-account';

/** Adds an account, in the name of the person chosen in the top strip, or of the first one, whom it names. */
export const POST = serve('POST /accounts', ({ deps, body, personId }) => addAccount(deps, body, personId));
