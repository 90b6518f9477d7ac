from ovlo import Motif, drawing, end_to_end


def scallop(nib):
    nib.left(60)
    nib.arc_right(20, 120)
    nib.left(60)


@drawing
def doily(nib):
    nib.travel_to(-20, -90)
    edge = end_to_end([Motif.record(scallop)] * 12, turn=30)
    nib.stamp(edge)
