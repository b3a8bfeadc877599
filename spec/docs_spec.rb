# frozen_string_literal: true

# What the documents say is held by what they name.
RSpec.describe "docs/ARCHITECTURE.md" do
  it "names files that there are" do
    root = Roost::Settings::ROOT
    text = File.read(File.join(root, "docs/ARCHITECTURE.md"))
    folders = "core|live|web|store|operations|exchange|jobs|setup|assets|spec|config|bench"
    files = text.gsub("KIND", "choice").scan(%r{`((?:#{folders})/[\w/.*]+\.\w+)`}).flatten
    expect(files.length).to be > 60
    expect(files.reject { |file| Dir[File.join(root, file), File.join(root, "lib/roost", file)].any? }).to eq([])
  end
end

RSpec.describe "What a new engineer reads" do
  read = ->(name) { File.read(File.join(Roost::Settings::ROOT, name)) }

  it "fits a morning, and names commands and files that there are" do
    expect(read.call("docs/ARCHITECTURE.md").split.length).to be <= 2_500
    text = %w[README.md CONTRIBUTING.md CHANGELOG.md].map(&read).join
    commands = text.scan(%r{`?\b(bin/[a-z]+)\b}).flatten.uniq
    expect(commands.length).to be > 10
    expect(commands.reject { |name| File.executable?(File.join(Roost::Settings::ROOT, name)) }).to eq([])
  end

  it "has a version that the changes begin with" do
    expect(read.call("CHANGELOG.md")[/^## (\S+?),? /, 1]).to eq(read.call("VERSION").strip)
  end

  it "explains words that the code has" do
    names = read.call("docs/GLOSSARY.md").scan(/`(?:Core|Session|Store|Game|Exchange|Kinds|Grading|Analysis)::(\w+)/).flatten
    expect(names.length).to be > 20
    known = Dir[File.join(Roost::Settings::ROOT, "lib/roost/**/*.rb")].map { |file| File.basename(file, ".rb").delete("_") }
    known += Roost::Core::Kinds::NAMES
    expect(names.map(&:downcase) - known).to eq([])
  end
end

RSpec.describe "docs/SECURITY.md" do
  text = File.read(File.join(Roost::Settings::ROOT, "docs/SECURITY.md"))
  rows = text.lines.grep(%r{\A\|.*`spec/})

  it "names an example for every promise, and each of them is there" do
    promises = text.lines.grep(/\A\| (?!promise|what \|)/)
    expect(promises - rows).to eq([])
    expect(rows.length).to be > 30
    missing = rows.reject do |row|
      file, name = row.match(%r{`(spec/[\w/]+_spec\.rb)`: (.+?) \|\s*\z}).captures
      File.read(File.join(Roost::Settings::ROOT, file)).include?(%(it "#{name}))
    end
    expect(missing).to eq([])
  end

  it "names files and settings that there are" do
    files = text.scan(%r{`((?:core|live|web|store|operations|exchange|jobs)/[\w/]+\.rb)`}).flatten
    expect(files.reject { |file| File.exist?(File.join(Roost::Settings::ROOT, "lib/roost", file)) }).to eq([])
    settings = File.read(File.join(Roost::Settings::ROOT, "config/settings.rb"))
    expect(text.scan(/ROOST_[A-Z_]+/).uniq.reject { |name| settings.include?(name) }).to eq([])
  end
end
