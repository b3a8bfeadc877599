# frozen_string_literal: true

require "vips"

# Several screenshots on one sheet.
module PictureSheet
  HEIGHT = 500
  APART = { shim: 8, expand: true }.freeze

  private

  def shot(session) = sleep(0.7).then { session.driver.browser.screenshot_as(:png) }

  # @param rows [Array<Array<String>>] PNG, row by row
  # @param path [String] where the sheet goes
  def write_sheet(rows, path)
    lines = rows.map { |row| row.map { |png| small(png) }.reduce { |left, right| left.join(right, :horizontal, **APART) } }
    lines.reduce { |top, bottom| top.join(bottom, :vertical, **APART, background: [255]) }.write_to_file(path)
  end

  def small(png)
    picture = Vips::Image.new_from_buffer(png, "").colourspace(:srgb)
    picture = picture.flatten(background: [255, 255, 255]) if picture.has_alpha?
    picture.resize(HEIGHT / picture.height.to_f)
  end
end
