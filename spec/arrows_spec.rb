# frozen_string_literal: true

require "erubi"

# Which layer may name which: as the table in docs/ARCHITECTURE.md has it.
RSpec.describe "The layers" do
  root = File.join(Roost::Settings::ROOT, "lib/roost")
  rows = File.read(File.join(Roost::Settings::ROOT, "docs/ARCHITECTURE.md"))[/\| layer \| may name \|\n\|.*\n((?:\|.*\n)+)/, 1]
  allowed = rows.lines.to_h do |row|
    layer, names = row.split("|").map(&:strip).reject(&:empty?)
    [layer, names.to_s.scan(/[a-z]+/)]
  end

  # The layers that a piece of Ruby names.
  def self.named(ruby, layers)
    found = []
    visit = lambda do |node|
      next unless node.is_a?(RubyVM::AbstractSyntaxTree::Node)

      found << first_of(node)
      node.children.each(&visit)
    end
    visit.call(RubyVM::AbstractSyntaxTree.parse(ruby))
    found.compact.map { |name| name.to_s.downcase }.uniq & layers
  end

  # The outermost name of a constant, below Roost; nil of anything else.
  def self.first_of(node)
    scope, name = *node.children
    case node.type
    when :CONST, :COLON3 then scope
    when :COLON2 then name if scope.nil? || (%i[CONST COLON3].include?(scope.type) && scope.children == [:Roost])
    end
  end

  # @return [Hash{String=>Array<String>}] file to the layers that it names and may not
  def self.wrong(files, root, allowed)
    found = files.to_h do |file|
      text = File.read(file)
      ruby = file.end_with?(".erb") ? Erubi::Engine.new(text).src : text
      layer = file.delete_prefix("#{root}/").split("/").first
      [file.delete_prefix("#{root}/"), named(ruby, allowed.keys) - [layer, *allowed.fetch(layer)]]
    end
    found.reject { |_, names| names.empty? }
  end

  it "are those that the table names" do
    expect(allowed.keys).to match_array(Dir.children(root))
  end

  it "name none but those the table allows" do
    files = Dir[File.join(root, "**/*.{rb,erb}")]
    expect(files.length).to be > 300
    expect(self.class.wrong(files, root, allowed)).to eq({})
  end

  it "would be found out if they did" do
    expect(self.class.named("Store::Seats.new; Roost::Web::App; ::Live; Foo::Exchange", allowed.keys)).to eq(%w[store web live])
  end
end
