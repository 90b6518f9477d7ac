from ovlo import Motif, drawing


def gull(nib):
    nib.arc_right(25, 80)
    nib.left(90)
    nib.arc_right(25, 80)


@drawing(width=500, height=500)
def ring_of_gulls(nib):
    one = Motif.record(gull)
    for _ in range(14):  # wrong (rosette-misses-360): for _ in range(15):
        with nib.returning():
            nib.travel(150)
            nib.stamp(one)
        nib.left(24)
