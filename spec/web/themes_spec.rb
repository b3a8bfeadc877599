# frozen_string_literal: true

RSpec.describe "The looks of a lesson" do
  let(:themes) do
    css = File.read(File.join(Roost::Settings::ROOT, "assets/scss/_themes.scss")).gsub(/#(\h)(\h)(\h)\b/, '#\\1\\1\\2\\2\\3\\3')
    css.scan(/\.theme-(\w+) \{(.*?)\n\}/m).to_h { |name, body| [name, body.scan(/--([\w-]+): (#\h{6})/).to_h] }
  end

  # Relative luminance and contrast: WCAG 2.1.
  def luminance(hex)
    red, green, blue = hex.scan(/\h\h/).map do |pair|
      share = pair.hex / 255.0
      share <= 0.03928 ? share / 12.92 : ((share + 0.055) / 1.055)**2.4
    end
    (0.2126 * red) + (0.7152 * green) + (0.0722 * blue)
  end

  def contrast(one, other)
    lighter, darker = [luminance(one), luminance(other)].sort.reverse
    (lighter + 0.05) / (darker + 0.05)
  end

  # What is written on what, on each surface.
  let(:pairs) do
    stage = %w[stage-top stage-mid stage-low].product(%w[stage-ink stage-soft stage-accent])
    seat = %w[paper card].product(%w[ink quiet amber-deep]) + [%w[sand ink], %w[amber on-amber], %w[amber-soft ink]]
    stage + seat + [%w[stage-card stage-ink], %w[stage-card stage-soft], %w[stage-top stage-right], %w[stage-right stage-top]]
  end

  it "are the six that a lesson can have" do
    expect(themes.keys).to eq(Roost::Core::Details::THEMES.keys)
  end

  it "keep 4.5:1 for every text on every surface" do
    poor = themes.flat_map do |name, colours|
      pairs.filter_map do |under, over|
        ratio = contrast(colours.fetch(under), colours.fetch(over))
        "#{name}: #{over} on #{under} #{ratio.round(2)}" if ratio < 4.5
      end
    end
    expect(poor).to be_empty
  end
end
