class Queen
