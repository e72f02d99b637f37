export { changeLane, dropLane, keepLanes, listLanes, orderLanes } from './lanes.ts';
