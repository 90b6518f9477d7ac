from ovlo import drawing, ramp


@drawing(paper="midnightblue")
def dusk(nib):
    for i, colour in enumerate(ramp("midnightblue", "coral", 12)):
        nib.travel_to(0, 220 - 40 * i)
        nib.rectangle(640, 40, fill=colour, outline=False)
