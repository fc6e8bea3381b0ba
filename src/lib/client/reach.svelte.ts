/** Whether the server answers, as far as whoever last asked it knows. */
class Reach {
  /** What was sent and not answered; 0 while there is a line. */
  waiting = $state(0);
}

export const reach = new Reach();
