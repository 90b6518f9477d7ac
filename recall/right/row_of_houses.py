from ovlo import drawing


@drawing(paper="seashell")
def terrace(nib):
    nib.travel_to(-250, -60)
    for _ in range(5):
        for length, turn in [(100, 90), (70, 30), (100, 120), (100, 30), (70, 90)]:
            nib.forward(length)
            nib.left(turn)
        nib.forward(100)
