from ovlo import drawing


@drawing
def label(nib):
    nib.circle(60, fill="gold")
    nib.lift()
    nib.travel_to(0, -100)
    nib.text("the sun", align="middle")  # wrong (still-lifted): nib.lower(); nib.text("the sun", align="middle")
