from ovlo import Sheet

sheet = Sheet(500, 300)
left, right = sheet.new_nib(-100, 0), sheet.new_nib(100, 0)
left.ink, right.ink = "teal", "tomato"
for i in range(30):
    left.forward(4 + i)
    left.left(75)
    right.forward(4 + i)
    right.right(75)
sheet.save("two.svg")
