from ovlo import drawing


@drawing(paper="lightsteelblue")
def lighthouse(nib):
    with nib.area("white"):
        nib.travel_to(-40, -150)
        nib.line_to(40, -150)
        nib.line_to(26, 80)
        nib.line_to(-26, 80)
        nib.line_to_start()
    for i in range(3):
        y = -120 + 70 * i
        with nib.area("firebrick", outline=False):
            nib.travel_to(-38 + 4 * i, y)
            nib.line_to(38 - 4 * i, y)
            nib.line_to(36 - 4 * i, y + 30)
            nib.line_to(-36 + 4 * i, y + 30)
            nib.line_to_start()
    nib.travel_to(0, 95)
    nib.rectangle(36, 30, fill="gold")
    nib.travel_to(0, 120)
    nib.polygon(3, radius=28, turn=90, fill="firebrick")
