from ovlo import drawing


@drawing(paper="lightgoldenrodyellow")
def wall(nib):
    nib.travel_to(-240, 0)
    for _ in range(6):
        for turn in (90, -90, -90, 90):
            nib.forward(20)
            nib.left(turn)
