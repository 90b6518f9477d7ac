from ovlo import drawing


@drawing(paper="lightcyan")
def kite(nib):
    with nib.area("orchid"):
        nib.line_to(60, 40)
        nib.line_to(0, 90)
        nib.line_to(-60, 40)
        nib.line_to(3, 2)  # wrong (not-closed): nib.line_to(0, 0)
