/** What stands on a sheet: each is one page, unless all of them are asked for. */
export const SHEET_PARTS = [
  ['form', 'the form'],
  ['place', 'one place'],
  ['runs', 'on the page'],
  ['grid', 'the grid'],
  ['all', 'all four'],
] as const;
export type SheetPart = (typeof SHEET_PARTS)[number][0];
