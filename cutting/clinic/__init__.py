"""From what is seen to its cause and to one change that helps; and the same causes drawn, to practise on."""
