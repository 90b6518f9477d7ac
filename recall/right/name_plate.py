from ovlo import drawing


@drawing
def plate(nib):
    nib.rectangle(300, 90, fill="navy")
    nib.ink = "white"
    nib.text("Marrow Bay", size=36, align="middle", baseline="middle")
