# frozen_string_literal: true

# Photographs made up of chance, as large as a phone's camera makes them.
module Photographs
  # @param seed [Integer] the same is the same picture
  # @return [String] JPEG of 2,000 by 1,500 pixels
  def self.jpeg(seed)
    shapes = [20, 160].map { |cells| noise(cells, seed).resize(2000.0 / cells, kernel: :cubic) }
    grain = Vips::Image.gaussnoise(2000, 1500, mean: 0, sigma: 6, seed: seed)
    grey = (shapes[0] * 0.7) + (shapes[1] * 0.3) + grain
    Vips::Image.bandjoin([grey, grey * 0.9, grey * 0.7]).cast(:uchar).copy(interpretation: :srgb).jpegsave_buffer(Q: 85)
  end

  def self.noise(cells, seed) = Vips::Image.gaussnoise(cells, cells * 3 / 4, mean: 128, sigma: 45, seed: seed)
  private_class_method :noise
end
