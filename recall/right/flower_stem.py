from ovlo import drawing


@drawing(paper="ivory")
def thrift(nib):
    nib.travel_to(0, -180)
    nib.turn_to(90)
    nib.ink = "green"
    nib.forward(180)
    nib.ink = "hotpink"
    for _ in nib.full_turn(8):
        for _ in range(2):
            nib.arc_left(60, 60)
            nib.left(120)
