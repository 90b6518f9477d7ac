from ovlo import drawing


@drawing(width=520, height=260, paper="azure")
def moored(nib):
    nib.travel_to(0, -40)
    nib.rectangle(480, 120, fill="lightblue")
    for row in range(2):
        for berth in range(5):  # wrong (short-row): for berth in range(6):
            nib.travel_to(-200 + 80 * berth, -70 + 60 * row)
            nib.ellipse(50, 24, fill="peru")
            nib.rectangle(16, 10, fill="white")
