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
