from ovlo import drawing


@drawing(width=320, height=240, paper="wheat")
def crab(nib):
    """A crab of the beach: an oval with legs and claws on both sides."""
    nib.ellipse(80, 50, fill="tomato")
    for side in (-1, 1):
        for leg in range(3):
            nib.travel_to(side * 30, 10 - 12 * leg)
            nib.line_to(side * 60, 20 - 24 * leg)
        nib.travel_to(side * 25, 20)
        nib.line_to(40, 50)  # wrong (unmirrored): nib.line_to(side * 40, 50)
