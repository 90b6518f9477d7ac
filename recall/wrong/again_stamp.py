from ovlo import Motif, drawing


def buoy(nib):
    nib.circle(12, fill="orange")
    nib.rectangle(6, 40, fill="navy")


@drawing
def moorings(nib, count: int = 5):
    motif = Motif.record(buoy)
    nib.travel_to(-160, 0)
    for _ in range(count):
        nib.stamp(motif)  # wrong (drawn-again): nib.travel(60); nib.stamp(motif)
