from ovlo import drawing


@drawing(paper="skyblue")
def morning(nib):
    nib.travel_to(150, 120)  # wrong (covered): nib.travel_to(0, 0)
    nib.circle(35, fill="gold", outline=False)  # wrong (covered): nib.pause(1)
    nib.travel_to(0, 100)
    nib.rectangle(640, 280, fill="lightskyblue", outline=False)
    #+ nib.travel_to(150, 120)
    #+ nib.circle(35, fill="gold", outline=False)
