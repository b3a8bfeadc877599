# frozen_string_literal: true

RSpec.describe Roost::Core::RudeNames do
  rude = Roost::Store::WordLists.rude_names

  # What each is, in letters: a spec of this can't do without.
  honest = ["Scunthorpe Bell", "Penistone", "Ian Hancock", "Peacock", "Babcock", "Alcock", "Hitchcock", "Cockburn",
            "Cockcroft", "Cocker", "Cockermouth", "Dickson", "Dickinson", "Dickens", "Dickman", "Benedick",
            "Cassandra", "Hassan", "Bassett", "Massimo", "Assunta", "Assad", "Lassiter", "Kassel", "Assam", "Sexton",
            "Essex", "Sussex", "Titus", "Letitia", "Tiit", "Titchmarsh", "Tittensor", "Analiese", "Analyn", "Ana L",
            "Cumberbatch", "Cummings", "Draper", "Fagan", "Fagerholm", "Arsenio", "Wankhede", "Swank", "Slutsky",
            "Atwater", "Matsushita", "Takeshita", "Shitara", "Porntip", "Siriporn", "Pornchai", "Nazia", "Nazir",
            "Phuc Nguyen", "Phuong", "Fuchs", "Kuntze", "Cooney", "Spicer", "Gropius", "Mongkut", "Hornby", "Shota",
            "Guro", "Quim", "Poon", "Lolita", "Hooker", "Buttercup", "Butterworth", "Clitheroe", "Suckling",
            "Hope Nissen", "Ben Isaac", "Bo Ob", "Shi Ting", "Bo 455", "J S", "O'Shea", "Jean-Luc", "Łukasz",
            "Søren", "İpek"].freeze
  attempts = ["fuck", "FUCK you", "Fuuuuck", "fuuck", "f u c k", "f.u.c.k", "f-u-c-k", "f_u_c_k", "fu ck", "fuc k",
              "f*ck", "f**k", "fück", "ｆｕｃｋ", "fuсk", "𝒻𝓊𝒸𝓀", "ⓕⓤⓒⓚ", "f\u200Buck", "fu\u0301ck", "FuckBo",
              "xXfuckXx", "motherfucker", "fck", "fuk", "phuk", "sh1t", "5hit", "$hit", "sh!t", "s h i t", "shiiiit",
              "bullshit", "Shitface", "sh*t", "b1tch", "biatch", "b i t c h", "bitches", "cunt", "сunt", "c*nt",
              "a$$hole", "a55hole", "assh0le", "arsehole", "a s s h o l e", "asssss", "dumbass", "jackass", "d1ck",
              "dickhead", "d i c k", "Big Dick", "bigdick", "c0ck", "cockhead", "p3nis", "peniss", "pen1s", "pe nis",
              "v4g1na", "w4nker", "w a n k", "s1ut", "wh0re", "n1gger", "niggа", "fаg", "p0rn", "pornstar", "h1tler",
              "H i t l e r", "t1ts", "b00bs", "s3xy", "twat", "puss\u200By", "blow job", "n4zi", "fʊсκ", "🅵🆄🅲🅺", "ꜰᴜᴄᴋ",
              "𝕤𝕙𝕚𝕥", "s(hi)t", "sh|t", "5h!+", "(unt", "b!t(h", "vvanker", "phvck", "phuk", "fcuk", "btch", "dlck", "f#ck",
              "f🔥ck", "f-ck", "p*u*s*s*y", "s h i +", "fuck2016", "Mr Shit Smith", "arschloch", "4rschl0ch", "merde", "m.e.r.d.e",
              "puta", "сука", "kurwa", "ku®wa", "(azzo"].freeze

  it "lets #{honest.length} honest names pass that contain such letters" do
    expect(honest.length).to be >= 60
    expect(honest.select { |name| rude.include?(name) }).to eq([])
  end

  it "is not got round in #{attempts.length} ways" do
    expect(attempts.length).to be >= 60
    expect(attempts.reject { |name| rude.include?(name) }).to eq([])
  end

  it "lets all names pass that we make up, and those of the practice class" do
    birds = Roost::Core::MadeUpName
    made_up = birds::ADJECTIVES.product(birds::BIRDS.first(3)) + birds::ADJECTIVES.first(3).product(birds::BIRDS)
    expect(birds::ADJECTIVES.length * birds::BIRDS.length).to be > 5000
    names = made_up.map { |pair| pair.join(" ") } + Roost::Core::Practice::Roster::NAMES
    expect(names.select { |name| rude.include?(name) }).to eq([])
  end

  it "takes a name only beside another, where it is a rude word as well" do
    expect(["Dick", "Big Dick", "Dick Head", "Cock Lover"].reject { |name| rude.include?(name) }).to eq([])
  end

  # 52 rude words of ten languages in twenty-six disguises, drawn: "Names" in rules.md.
  it "lets at most fifteen of a hundred disguises through" do
    drawn = Random.new(16)
    pick = ->(all) { all[drawn.rand(all.length)] }
    signs = { "a" => "@4а", "c" => "(с<", "e" => "3е€", "i" => "!1|", "l" => "1|", "o" => "0ο", "s" => "$5ѕ", "t" => "+7" }
    somewhere = ->(word) { 1 + drawn.rand(word.length - 2) }
    disguises = [->(word) { word.chars.map { |letter| signs[letter] ? pick.call(signs[letter]) : letter }.join },
                 ->(word) { word.tr("a-z", "ⓐ-ⓩ") }, ->(word) { word.tr("a-z", "ａ-ｚ") }, ->(word) { word.chars.join("\u0301") },
                 ->(word) { word.chars.map { |letter| letter * (1 + drawn.rand(3)) }.join },
                 ->(word) { word.chars.join(pick.call([" ", ".", "-", "_", "/"])) },
                 ->(word) { somewhere.call(word).then { |at| word[0, at] + pick.call([" ", ".", "-"]) + word[at..] } },
                 ->(word) { somewhere.call(word).then { |at| word[0, at] + pick.call(%w[* # _]) + word[(at + 1)..] } },
                 ->(word) { somewhere.call(word).then { |at| word[0, at] + word[at, 2].reverse + word[(at + 2)..].to_s } }]
    words = %w[fuck shit bitch cunt dick cock pussy asshole bastard wanker whore slut penis nigger faggot twat bollocks wank
               piss anal dildo retard prick arschloch scheisse ficken hure fotze mierda cabron pendejo merde salope putain
               cazzo stronzo kurwa chuj pizda caralho porra]
    through = disguises.flat_map { |disguise| words.map(&disguise) }.reject { |name| rude.include?(name) }
    expect(through.length).to be <= words.length * disguises.length * 15 / 100
  end

  it "lets at least ninety-eight of a hundred honest names pass that nobody wrote into its list" do
    others = %w[Abdulkarim Ainsworth Arkwright Assington Balham Bassingbourn Bastow Beswick Bitterley Bonsall Bottomley
                Brockhurst Bumstead Butterwick Clapcott Cockermouth Cockfield Cockshaw Cocklin Coxon Crapstone Cumdivock
                Cunliffe Dickleburgh Dickinson Dinglewick Fagley Fartown Fingringhoe Fockbury Fulham Hampole Handcock
                Hickling Horncastle Horsey Kirkcudbright Lickfold Lickley Matlock Middlewich Nether Nobottle Peckham
                Penisarwaun Penketh Pidcock Pillock Pishill Pixley Poopley Pratts Pratt Ramsbottom Sandwich Scratby Shelf
                Shitlingthorpe Sidebottom Slaggyford Slapton Spital Spunkley Stockport Swanwick Thornton Titchwell Titley
                Tittleshall Twycross Ugley Upperthong Wankford Wapping Wetwood Whitcomb Willey Winkle Woodcock Wyre Yateley]
    expect(others.count { |name| rude.include?(name) }).to be <= others.length * 2 / 100
  end

  it "looks at no more than a name can have" do
    expect(Roost::Core::SeatName::LIMIT).to be < described_class::LONGEST
    expect(rude.include?("#{"q" * described_class::LONGEST} fuck")).to be(false)
  end
end
