import { cleanup, configure } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, vi } from 'vitest';

configure({ asyncUtilTimeout: 10_000 }); // a slow machine is no fault of the code

/** What a browser has and jsdom lacks: sizes, so that virtual lists show rows, and a few calls that packages make. */
const [WIDTH, HEIGHT] = [1_000, 800];
Object.defineProperties(HTMLElement.prototype, {
  offsetWidth: { configurable: true, get: () => WIDTH },
  offsetHeight: { configurable: true, get: () => HEIGHT },
  clientWidth: { configurable: true, get: () => WIDTH },
  clientHeight: { configurable: true, get: () => HEIGHT },
});
HTMLElement.prototype.getBoundingClientRect = () => new DOMRect(0, 0, WIDTH, HEIGHT);
HTMLElement.prototype.scrollIntoView = () => undefined;
HTMLElement.prototype.scrollTo = (() => undefined) as HTMLElement['scrollTo'];
HTMLElement.prototype.hasPointerCapture = () => false;
HTMLElement.prototype.setPointerCapture = () => undefined;
HTMLElement.prototype.releasePointerCapture = () => undefined;
class NoObserver {
  observe() {}
  unobserve() {}
  disconnect() {}
}
vi.stubGlobal('ResizeObserver', NoObserver);
vi.stubGlobal('IntersectionObserver', NoObserver);
vi.stubGlobal('matchMedia', () => ({
  matches: false,
  addEventListener: () => undefined,
  removeEventListener: () => undefined,
  addListener: () => undefined,
  removeListener: () => undefined,
}));

const router = { push: vi.fn(), replace: vi.fn(), refresh: vi.fn() };
const search = new URLSearchParams();
vi.mock('next/navigation', () => ({
  useRouter: () => router,
  usePathname: () => '/web/sift',
  useSearchParams: () => search,
}));

afterEach(() => {
  toast.dismiss(); // toasts outlive what showed them
  cleanup();
  window.localStorage.clear();
});
