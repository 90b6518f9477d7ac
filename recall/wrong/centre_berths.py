from ovlo import drawing


@drawing(width=480, height=200)
def berths(nib):
    for number in range(1, 6):
        nib.travel_to(-270 + 90 * number, 0)
        nib.rectangle(70, 50, fill="lightblue")
        nib.travel_by(0, -50)
        nib.text(str(number), size=20)  # wrong (words-off-centre): nib.text(str(number), size=20, align="middle")
