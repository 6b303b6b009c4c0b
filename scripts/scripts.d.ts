declare module '*/scripts/architecture.mjs' {
  export function drawRooms(): string;
}
declare module '*/scripts/notices.mjs' {
  export function productionPackages(): { name: string; version: string; license: string }[];
  export function mayShip(license: string): boolean;
  export function noticesPage(): string;
}
