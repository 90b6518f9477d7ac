from ovlo import drawing


@drawing(width=700, height=240)
def banner(nib):
    nib.rectangle(640, 180)
    nib.travel_to(0, -280)  # wrong (off-sheet): nib.travel_to(-280, 0)
    nib.text("Kite day", size=40)
