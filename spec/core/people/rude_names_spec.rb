# frozen_string_literal: true

require "json"

RSpec.describe Roost::Core::RudeNames do
  words = JSON.parse(File.read(File.join(Roost::Settings::ROOT, "node_modules/naughty-words/en.json")))
  rude = described_class.new(words)

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
              "H i t l e r", "t1ts", "b00bs", "s3xy", "twat", "puss\u200By", "blow job", "n4zi"].freeze

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

  it "looks at no more than a name can have" do
    expect(Roost::Core::SeatName::LIMIT).to be < described_class::LONGEST
    expect(rude.include?("#{"q" * described_class::LONGEST} fuck")).to be(false)
  end
end
