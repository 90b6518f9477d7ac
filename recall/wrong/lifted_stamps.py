from ovlo import Motif, drawing


def gull(nib):
    nib.arc_right(20, 90)
    nib.left(90)
    nib.arc_right(20, 90)


@drawing
def flock(nib):
    bird = Motif.record(gull)
    nib.stamp(bird)
    nib.lift()  # wrong (still-lifted): nib.pause(1)
    for x in range(-200, 200, 80):
        nib.travel_to(x, 60)
        nib.stamp(bird)
