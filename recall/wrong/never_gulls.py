from ovlo import drawing


def gull(nib, x, y):
    nib.travel_to(x, y)
    nib.turn_to(45)
    nib.arc_right(20, 90)
    nib.turn_to(45)
    nib.arc_right(20, 90)


@drawing(paper="skyblue")
def bay(nib):
    nib.travel_to(0, -150)
    nib.rectangle(640, 180, fill="teal", outline=False)
    #+ gull(nib, -50, 100)
    nib.travel_to(200, 150)  # wrong (unused-function): nib.travel_to(200, 150)
    nib.circle(40, fill="gold")
