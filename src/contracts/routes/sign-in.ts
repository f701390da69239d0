import { DoneSchema } from '../common';
import {
  ChangePasswordSchema,
  CodeSchema,
  CompanySchema,
  LinkSchema,
  NewFactorSchema,
  OwnPasswordSchema,
  SignedInSchema,
  SignInsAnswerSchema,
  SignInSchema,
  TakeLinkSchema,
  YouSchema,
} from '../sign-in';
import { routesOf } from './route';

export const signInRoutes = routesOf({
  'POST /sign-in': { role: 'anybody', body: SignInSchema, answer: SignedInSchema },
  'POST /sign-in/code': { role: 'anybody', body: CodeSchema, answer: SignedInSchema },
  /** sets address and password, and signs in */
  'POST /sign-in/link': { role: 'anybody', body: TakeLinkSchema, answer: SignedInSchema },
  /** begins to sign in by the company */
  'POST /sign-in/company': { role: 'anybody', answer: CompanySchema },
  'POST /sign-out': { role: 'anybody', answer: DoneSchema },
  'POST /sign-out/everywhere': { role: 'oneself', answer: DoneSchema },
  'GET /you': { role: 'oneself', answer: YouSchema, from: [] },
  'GET /you/data': { role: 'oneself', answer: 'file' },
  'POST /you/password': { role: 'oneself', body: ChangePasswordSchema, answer: DoneSchema },
  /** begins a second factor, which counts once a code of it was given */
  'POST /you/factor': { role: 'oneself', body: OwnPasswordSchema, answer: NewFactorSchema },
  'POST /you/factor/code': { role: 'oneself', body: CodeSchema, answer: DoneSchema },
  'POST /you/factor/off': { role: 'oneself', body: OwnPasswordSchema, answer: DoneSchema },
  'POST /you/sessions/[session]/end': { role: 'oneself', answer: DoneSchema },
  'GET sign-ins': { role: 'own', answer: SignInsAnswerSchema, from: [] },
  'POST people/[person]/link': { role: 'own', answer: LinkSchema, changes: [] },
});
