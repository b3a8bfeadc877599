# frozen_string_literal: true

RSpec.describe Roost::Exchange::CaseFramework do
  def read(package)
    Tempfile.create(["case", ".json"]) do |file|
      file.write(package.is_a?(String) ? package : JSON.generate(package))
      file.flush
      described_class.read(file.path)
    end
  end

  def item(id, code, words, **more)
    { "identifier" => id, "humanCodingScheme" => code, "fullStatement" => words, **more.transform_keys(&:to_s) }
  end

  def child(one, other)
    { "associationType" => "isChildOf", "originNodeURI" => { "identifier" => one },
      "destinationNodeURI" => { "identifier" => other } }
  end

  it "takes items as standards, each under the one it is a child of" do
    found = read({ "CFDocument" => { "title" => "Marsh" },
                   "CFItems" => [item("a", "SCI.7", "Science"), item("b", "SCI.7.1", "Describe, how", educationLevel: %w[07 08])],
                   "CFAssociations" => [child("b", "a"), { "associationType" => "isPeerOf" }, "nonsense"] }).value
    expect(found.standards.map { |each| each.values_at(:code, :words, :level, :parent) })
      .to eq([["SCI.7", "Science", "", ""], ["SCI.7.1", "Describe, how", "07, 08", "SCI.7"]])
  end

  it "says which items can't be used, and what is no package" do
    found = read({ "CFItems" => [item("a", "", "No code"), { "identifier" => 7 }, item("b", "X", "y" * 1001)] }).value
    expect([found.standards, found.refused.map(&:first)]).to eq([[], [1, 3]]) # the second says nothing at all
    expect(read("{").reason).to eq(described_class::NO_JSON)
    expect(read([1]).reason).to eq(described_class::NO_CASE)
    expect(read("\xFF").ok?).to be(false)
    expect(read("[" * 500).ok?).to be(false)
  end
end
