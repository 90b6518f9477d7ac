from ovlo import drawing


@drawing
def flag(nib):
    for i, colour in enumerate(["seagreen", "white", "tomato"]):
        nib.travel_to(0, 60 - 60 * i)
        nib.rectangle(300, 60, fill=colour, outline=False)
    nib.travel_to(0, 0)
    nib.rectangle(300, 180)
