export { changeLane, dropLane, listLanes, orderLanes, saveLanes } from './lanes.ts';
