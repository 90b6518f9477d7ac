from ovlo import drawing


@drawing(width=480, height=320, paper="powderblue")
def meadow(nib):
    nib.travel_to(-240, -160)
    nib.rectangle(480, 120, fill="darkseagreen", outline=False)  # wrong (off-sheet): nib.rectangle(480, 120, anchor="corner", fill="darkseagreen", outline=False)
    nib.travel_to(60, 0)
    nib.circle(30, fill="gold")
