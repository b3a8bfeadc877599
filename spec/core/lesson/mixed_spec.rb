# frozen_string_literal: true

RSpec.describe "A lesson mixed for one session" do
  let(:lesson) do
    slides = (1..12).map { |place| slide("s#{place}", prompt: place == 3 ? nil : choice(id: "p#{place}", keys: ["o1"])) }
    sections = [section("round", "game", %w[s2 s3 s4 s5 s6 s7 s8]), section("talk", "paced", %w[s10 s11])]
    Roost::Core::Lesson.new(title: "Marsh", slides: slides, sections: sections)
  end

  def order(mixed) = mixed.slides.map(&:id)

  it "has the questions of a round in another order, and all else where it was" do
    orders = (1..5).map { |seed| order(lesson.questions_mixed(Random.new(seed))) }
    expect(orders.uniq.length).to be > 1
    orders.each do |mixed|
      expect(mixed.values_at(0, 2, *(8..11))).to eq(%w[s1 s3 s9 s10 s11 s12])
      expect(mixed.sort).to eq(order(lesson).sort)
    end
    mixed = lesson.questions_mixed(Random.new(2))
    expect(mixed.section_of("s5").slide_ids.sort).to eq(lesson.section_of("s5").slide_ids)
  end

  it "gives each seat the options in another order, where the kind can" do
    mixed = lesson.with(slides: [*lesson.slides, slide("w", prompt: writing(id: "pw"))]).parts_mixed
    expect(mixed.prompts.to_h { |each| [each.id, each.prompt.shuffle?] }).to include("s1" => true, "w" => false)
    expect(mixed.slide("s1").prompt.options).to eq(lesson.slide("s1").prompt.options)
  end
end
