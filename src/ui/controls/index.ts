export { Checkbox } from './Checkbox';
export { RadioRow, TabRow, ToggleRow } from './Choices';
export { Select, type SelectOption } from './Select';
export { Slider } from './Slider';
export { Switch } from './Switch';
export { Tip } from './Tip';
