/** Nothing is large: the seats below have all the room, each as large as it can be read from afar. */
export const NoStage = () => null;
