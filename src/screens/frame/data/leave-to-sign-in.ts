/** Opens the page to sign in, which leads back to where one was. The whole page is left, with what it holds of accounts. */
export function leaveToSignIn(): void {
  const { pathname, search } = window.location;
  const page = `/sign-in?to=${encodeURIComponent(pathname + search)}`;
  window.location.replace(page);
}
