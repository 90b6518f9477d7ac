from ovlo import drawing


@drawing(width=480, height=320)
def leaves(nib):
    for _ in range(60):
        nib.travel_to(nib.dice.point(margin=20))
        nib.turn_to(nib.dice.number(0, 360))
        nib.ellipse(18, 8, fill=nib.dice.pick(["gold", "peru", "tomato"]), outline=False)
    nib.travel_to(0, 0)  # wrong (left-over-turn): nib.travel_to(0, 0); nib.turn_to(0)
    nib.text("October", size=60, align="middle", weight="bold")
