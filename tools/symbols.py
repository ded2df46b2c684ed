"""Makes the shelf of symbols from the npm package @phosphor-icons/core 2.1.1 (MIT License), its filled style.

Usage: npm pack @phosphor-icons/core@2.1.1, unpack it, then: tools/symbols.py FOLDER/package
"""

import json
import re
import sys
from pathlib import Path

TARGET = Path(__file__).parent.parent / "src" / "kavlet" / "assets" / "symbols" / "symbols.json"

# group: "file = name: words to find it by", one a line
SHELF = {
    "people": """
        person = person: human adult figure visitor
        person-simple = figure: human person visitor member
        person-arms-spread = arms spread: person joy open
        person-simple-walk = walker: walk visitor hike pedestrian
        person-simple-hike = hiker: walk trail backpack guide
        person-simple-run = runner: run race sport fast
        person-simple-bike = cyclist: bike cycle ride sport
        person-simple-swim = swimmer: swim bath water sport
        person-simple-ski = skier: ski winter snow sport
        user = head: person account member user
        users = pair: people members two group
        users-three = group: people team crowd members
        baby = baby: child birth infant
        student = student: school graduate pupil
        wheelchair = wheelchair: access disability mobility
        handshake = handshake: deal agreement partner
        hand-heart = caring hand: volunteer donation help care
        hands-clapping = applause: clap praise event
        hand-waving = wave: hello greeting hand
        footprints = footprints: steps visitors track walk
        chalkboard-teacher = teacher: school lesson class
        crown = crown: winner best royal
    """,
    "nature": """
        tree = tree: wood forest leaf plant
        tree-evergreen = fir: conifer forest wood pine
        tree-palm = palm: beach holiday south
        leaf = leaf: plant green nature ecology
        plant = seedling: sprout growth plant reed
        potted-plant = pot plant: house plant office green
        flower = flower: bloom blossom garden
        flower-tulip = tulip: flower spring garden
        flower-lotus = water lily: lotus pond flower
        clover = clover: luck leaf meadow
        cactus = cactus: desert plant dry
        grains = grain: wheat reed harvest crop
        acorn = acorn: oak nut seed
        feather = feather: bird light quill
        bird = bird: nest wings species tern
        fish = fish: water species catch
        butterfly = butterfly: insect wings summer
        bug = beetle: insect bug species
        paw-print = paw: animal mammal track
        cat = cat: pet animal
        dog = dog: pet animal
        rabbit = rabbit: hare animal pet
        horse = horse: animal ride farm
        cow = cow: cattle farm milk
        drop = drop: water rain liquid
        waves = waves: water sea lake
        mountains = mountains: hill peak landscape
        island = island: sea palm beach
        sun = sun: day light weather summer
        sun-horizon = dawn: sunrise dusk sunset
        moon = moon: night dusk dark
        cloud = cloud: weather sky
        cloud-rain = rain: weather cloud wet storm
        cloud-lightning = storm: thunder lightning weather
        snowflake = snowflake: snow winter cold ice
        wind = wind: air storm weather
        rainbow = rainbow: colours weather hope
        fire = fire: flame heat burn
        planet = planet: space world
        globe-hemisphere-west = globe: world earth international
    """,
    "buildings": """
        house = house: home family living
        building-apartment = flats: apartment block homes
        building-office = office block: company work tower
        buildings = town: city buildings street
        factory = factory: industry works production
        hospital = hospital: clinic health care
        bank = bank: museum columns money court
        church = church: chapel faith
        castle-turret = tower: castle turret history
        barn = barn: farm shed stable
        warehouse = warehouse: store depot logistics
        storefront = shop: store market retail
        garage = garage: car parking
        lighthouse = lighthouse: coast sea signal
        windmill = windmill: mill wind history
        tent = tent: camp event shelter
        bridge = bridge: river crossing span
        door = door: gate entrance room
        park = park: bench tree rest
        signpost = signpost: way direction trail path
    """,
    "transport": """
        car = car: drive vehicle auto
        bus = bus: coach public transport
        train = train: rail railway
        tram = tram: rail city transport
        subway = underground: metro rail city
        truck = lorry: truck freight delivery
        van = van: delivery vehicle
        bicycle = bicycle: bike cycle
        motorcycle = motorcycle: bike ride
        scooter = scooter: ride kick city
        airplane = aeroplane: flight plane travel
        boat = boat: ship ferry water
        sailboat = sailing boat: sail sea wind
        rocket = rocket: launch space start
        ambulance = ambulance: rescue hospital emergency
        tractor = tractor: farm field machine
        anchor = anchor: harbour ship port
        suitcase = suitcase: luggage travel holiday
        gas-pump = fuel pump: petrol fuel station
        parachute = parachute: jump fall safe
    """,
    "trade": """
        coins = coins: money cash fund
        coin = coin: money cash donation
        money = banknote: money cash pay
        wallet = wallet: money purse spend
        piggy-bank = piggy bank: saving fund money
        credit-card = card: pay credit bank
        currency-eur = euro: money currency
        currency-dollar = dollar: money currency
        currency-gbp = pound: money currency sterling
        shopping-cart = trolley: cart shopping buy
        shopping-bag = shopping bag: buy shop retail
        basket = basket: shopping market harvest
        tag = tag: price label sale
        receipt = receipt: bill invoice pay
        gift = gift: present donation birthday
        package = parcel: box package delivery
        shipping-container = container: freight ship export
        scales = scales: balance justice weigh
        trophy = trophy: cup prize winner
        medal = medal: prize award best
        ticket = ticket: entry admission event
        handbag = handbag: bag fashion
    """,
    "health": """
        heart = heart: love health like
        heartbeat = pulse: heart rate health
        first-aid = cross: first aid health help
        first-aid-kit = first aid kit: emergency rescue
        pill = pill: medicine drug
        syringe = syringe: vaccine injection
        stethoscope = stethoscope: doctor check
        tooth = tooth: dentist smile
        thermometer = thermometer: temperature fever heat
        brain = brain: mind memory
        virus = virus: illness germ
        bandaids = plaster: wound bandage
        bed = bed: sleep hospital hotel night
        barbell = barbell: sport fitness weight
        sneaker = trainer: shoe sport run
        soccer-ball = ball: football sport
    """,
    "food": """
        carrot = carrot: vegetable root
        cherries = cherries: fruit red
        orange = orange: fruit citrus
        avocado = avocado: fruit green
        pepper = pepper: vegetable hot
        bread = bread: loaf bakery
        cheese = cheese: milk dairy
        egg = egg: hen nest breakfast
        hamburger = burger: fast food meal
        pizza = pizza: slice meal
        cake = cake: birthday dessert
        cookie = biscuit: cookie sweet
        ice-cream = ice cream: summer sweet
        coffee = coffee: cup hot drink tea
        beer-stein = beer: mug drink pub
        wine = wine: glass drink
        fork-knife = cutlery: meal restaurant eat
        bowl-food = bowl: meal rice soup
    """,
    "energy": """
        lightning = lightning: power electricity energy
        lightbulb = light bulb: idea lamp energy
        plug = plug: power electricity socket
        battery-full = battery: charge power full
        solar-panel = solar panel: sun power roof
        fan = fan: wind turbine air
        flame = flame: gas heat fire
        nuclear-plant = power plant: nuclear cooling tower
        gas-can = fuel can: petrol oil canister
        engine = engine: motor machine pump
        charging-station = charging point: electric car
        recycle = recycling: reuse waste circle
        trash = bin: waste rubbish litter
        faders = controls: sliders settings
    """,
    "school": """
        book = book: read library
        book-open = open book: read page learn
        books = books: library shelf
        graduation-cap = mortarboard: degree graduate university
        backpack = backpack: school bag hike
        pencil = pencil: write draw
        pen-nib = nib: pen write ink
        ruler = ruler: measure length
        calculator = calculator: sums count
        flask = flask: science chemistry lab
        microscope = microscope: science lab research
        atom = atom: science physics
        puzzle-piece = puzzle: part piece solution
        palette = palette: art paint colour
        music-notes = music: notes song sound
        binoculars = binoculars: watch birds view survey
        camera = camera: photo picture
        magnifying-glass = magnifier: search find survey
        compass = compass: direction orientation
        map-trifold = map: route trail place
    """,
    "work": """
        briefcase = briefcase: work job business
        laptop = laptop: computer work
        desktop = screen: computer monitor
        device-mobile = mobile: phone call
        phone = telephone: call contact
        envelope = envelope: mail letter post
        paper-plane-tilt = paper plane: send message
        calendar = calendar: date month plan
        clock = clock: time hour
        hourglass = hourglass: time wait
        alarm = alarm clock: time wake
        clipboard-text = clipboard: list survey report
        file-text = document: file page report
        folder = folder: file archive
        newspaper = newspaper: press news
        megaphone = megaphone: announce campaign news
        hammer = hammer: tool build repair
        wrench = spanner: tool repair service
        gear = cog: gear machine settings
        hard-hat = hard hat: building site safety
        shovel = spade: dig garden plant
        broom = broom: clean sweep tidy
        paint-brush = brush: paint decorate
        lock = lock: safe security private
        key = key: access lock home
        shield-check = shield: safe protect insurance
        flag = flag: goal mark milestone
        target = target: goal aim hit
        bell = bell: notice reminder
        star = star: favourite rating best
        check-circle = tick: done yes right
        x-circle = crossed: no wrong failed
        thumbs-up = thumb up: like approve good
        thumbs-down = thumb down: dislike bad
        smiley = smile: happy face good
        smiley-sad = frown: sad face bad
        warning = warning: danger alert caution
        map-pin = pin: place location map
        circle = disc: dot round circle
        square = block: square box cell
    """,
}


def outline(svg: str) -> str:
    """All path data of a file as one."""
    return "".join(re.findall(r'<path d="([^"]+)"', svg))


def main() -> None:
    """Read the chosen files and write the shelf."""
    folder = Path(sys.argv[1]) / "assets" / "fill"
    symbols = []
    for group, lines in SHELF.items():
        for line in lines.strip().splitlines():
            file, _, rest = line.partition(" = ")
            name, _, words = rest.partition(": ")
            if not name.strip():
                continue
            svg = (folder / f"{file.strip()}-fill.svg").read_text(encoding="utf-8")
            symbols.append({"name": name.strip(), "group": group, "words": words.split(), "outline": outline(svg)})
    names = [str(symbol["name"]) for symbol in symbols]
    if len(set(names)) != len(names):
        raise SystemExit(f"named twice: {sorted({name for name in names if names.count(name) > 1})}")
    lines = ",\n".join(json.dumps(symbol, ensure_ascii=False) for symbol in symbols)
    TARGET.write_text(f"[\n{lines}\n]\n", encoding="utf-8")
    print(len(symbols))


main()
