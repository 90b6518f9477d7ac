from ovlo import Sheet

sheet = Sheet(640, 200)
nib = sheet.new_nib(-200, 0)
colours = ["crimson", "gold", "teal"]
nib.ink = colours[0]
for colour in colours:
    nib.circle(30)
    nib.travel(80)
sheet.nibs[0].ink = colours[-1]
nib.circle(10, fill=colours[1])
