import { LIMITS } from './src/core/contracts';
import type { NextConfig } from 'next';

const WORKER_POLICY = "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'";

const config: NextConfig = {
  // the framework cuts off longer bodies on their way through the request guard
  experimental: { proxyClientMaxBodySize: LIMITS.request.importBytes + 1024 },
  // finds its WebAssembly beside itself, which a bundle would take from it
  serverExternalPackages: ['libflacjs'],
  // `npm test` has read the types by the time it builds
  typescript: { ignoreBuildErrors: process.env.TYPES_CHECKED === 'yes' },
  reactStrictMode: true,
  poweredByHeader: false,
  devIndicators: false,
  async headers() {
    const common = [
      { key: 'x-content-type-options', value: 'nosniff' },
      { key: 'referrer-policy', value: 'no-referrer' },
      { key: 'permissions-policy', value: 'microphone=(self), camera=(), geolocation=()' },
      { key: 'cross-origin-opener-policy', value: 'same-origin' },
    ];
    // a worker obeys the policy of its own file's answer
    return [
      { source: '/:path*', headers: common },
      { source: '/_next/static/:path*', headers: [{ key: 'content-security-policy', value: WORKER_POLICY }] },
    ];
  },
};

export default config;
