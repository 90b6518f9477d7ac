from ovlo import drawing


@drawing
def sign(nib):
    nib.text("open", size=20, align="middle")  # wrong (covered): nib.pause(1)
    nib.rectangle(200, 80, fill="peachpuff")
    #+ nib.text("open", size=20, align="middle")
