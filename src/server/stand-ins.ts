/*
 * The small services that ship with the product, in the place of outside ones: a letterbox for mail, people outside who answer it, and
 * rooms to meet in from afar. Here alone they come in; each is used where no setting names a real one.
 */
export { startCorrespondents, type Traffic, trafficIn } from '../../standins/correspondents.ts';
export { type Letter, letterbox, lettersIn } from '../../standins/letterbox.ts';
export { roomAt } from '../../standins/meeting-rooms.ts';
