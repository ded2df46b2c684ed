"""python -m kavlet.cli"""

from kavlet.cli import main

if __name__ == "__main__":
    main()
