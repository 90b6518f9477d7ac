from ovlo import drawing

CATCH = [12, 19, 7, 15, 22, 9]


@drawing(width=480, height=320)
def catch(nib):
    for i, fish in enumerate(CATCH):
        nib.travel_to(-200 + 46 * i, -120)  # wrong (covered-row): nib.travel_to(-200 + 66 * i, -120)
        nib.rectangle(60, 9 * fish, anchor="corner", fill="cornflowerblue")
