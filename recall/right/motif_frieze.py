from ovlo import Motif, drawing, row


def bow(nib):
    for _ in nib.full_turn(3):
        nib.forward(30)
    for _ in nib.full_turn(3, clockwise=True):
        nib.back(30)


@drawing
def frieze(nib):
    nib.travel_to(-200, 0)
    nib.stamp(row([Motif.record(bow)] * 6, gap=8))
