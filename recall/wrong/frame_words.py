from ovlo import drawing


@drawing
def name_plate(nib, width=90):
    nib.rectangle(width, 34, fill="cornsilk")
    nib.text("Marrow Bay Kite Day", size=18, align="middle", baseline="middle")  # wrong (words-over-frame): nib.text("Kite day", size=18, align="middle", baseline="middle")
