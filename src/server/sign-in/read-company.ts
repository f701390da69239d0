import type { Company } from './auth';

/** The company by which people may sign in, as the environment names it; undefined where it names none. */
export function readCompany(env: NodeJS.ProcessEnv): Company | undefined {
  const { GATEPOST_COMPANY: name, GATEPOST_COMPANY_ISSUER: issuer } = env;
  const { GATEPOST_COMPANY_ID: clientId, GATEPOST_COMPANY_SECRET: clientSecret } = env;
  return name && issuer && clientId && clientSecret ? { name, issuer, clientId, clientSecret } : undefined;
}
