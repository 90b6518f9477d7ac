from ovlo import drawing

TEAMS = ["Gulls", "Terns", "Crabs"]


@drawing(width=320, height=240)
def board(nib):
    for i in range(2):  # wrong (short-remainder): for i in range(len(TEAMS)):
        nib.travel_to(-120, 60 - 60 * i)
        nib.text(TEAMS[i], size=30)
