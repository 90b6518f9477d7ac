from ovlo import drawing


@drawing(paper="white")
def snow(nib):
    for _ in range(40):
        nib.travel_to(nib.dice.point(20))
        nib.circle(4, fill="white", outline=False)  # wrong (no-contrast): nib.circle(4, fill="lightblue", outline=False)
