from ovlo import drawing


@drawing
def certificate(nib):
    with nib.styled(ink="#eeeeee"):
        for y in range(-200, 201, 40):
            nib.travel_to(-280, y)
            nib.text("Marrow Bay Marrow Bay Marrow Bay", size=28)
    nib.travel_to(0, 0)
    nib.text("First prize", size=60, align="middle")
