from ovlo import drawing


@drawing
def poster(nib):
    nib.circle(120, fill="coral")
    nib.travel_to(150, 180)  # wrong (off-sheet): nib.travel_to(-100, 180)
    nib.text("Kite day at Marrow Bay", size=30)
