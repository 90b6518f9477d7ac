from ovlo import drawing


@drawing(paper="skyblue")
def lanterns(nib):
    nib.travel_to(-200, -40)
    with nib.area("gold"):
        for _ in range(4):
            for _ in range(4):
                nib.forward(50)
                nib.left(90)
            nib.left(30)
            nib.forward(120)  # wrong (stray-line): nib.travel(120)
            nib.right(30)
