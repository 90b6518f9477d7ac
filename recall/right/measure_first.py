from ovlo import drawing


def bow(nib, size):
    nib.arc_left(size, 120)
    nib.arc_right(size, 120)


@drawing
def centred_bow(nib):
    with nib.lifted():
        start = nib.position
        bow(nib, 60)
        end = nib.position
    nib.travel_to(start[0] - end[0] / 2, -end[1] / 2)
    nib.turn_to(0)
    bow(nib, 60)
