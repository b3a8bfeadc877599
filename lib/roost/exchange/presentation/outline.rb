# frozen_string_literal: true

require "json"
require "nokogiri"
require "zip"

module Roost
  module Exchange
    class Presentation
      # The titles and speaker notes of a presentation's slides (PPTX), in their order, hidden ones left
      # out. Read in a process of its own (bin/read); loads nothing else of the program. What is none
      # is Unreadable.
      class Outline
        MOST_SLIDES = 300
        MOST_PART = 5 * 1024 * 1024 # bytes of one slide
        BROKEN = "could not be read as slides."
        TITLES = %w[title ctrTitle].freeze

        # @return [String] JSON, a list of [title, notes]
        def self.read(path) = Zip::File.open(path) { |zip| JSON.generate(new(zip).slides) }

        def initialize(zip)
          Zip.validate_entry_sizes = true
          @zip = zip
        end

        # @return [Array<Array(String, String)>]
        def slides
          links = links("ppt/presentation.xml")
          shown = part("ppt/presentation.xml").xpath("//sldIdLst/sldId").first(MOST_SLIDES)
          shown.filter_map { |each| links[link(each)] }.filter_map { |path| slide(path) }
        rescue Zip::Error, Nokogiri::XML::SyntaxError
          raise Unreadable, BROKEN
        end

        private

        # Of its two ids, by which it is pointed to.
        def link(element) = element.attribute_nodes.map(&:value).find { |id| id.start_with?("r") }

        def slide(path)
          page = part(path)
          return nil if page.root["show"] == "0"

          notes = links(path).values.find { |each| each.include?("notesSlide") }
          title = shapes(page).find { |shape| TITLES.include?(placeholder(shape)) }
          [words(title).tr("\n", " ").squeeze(" "), notes ? notes(part(notes)) : ""]
        end

        def notes(page) = words(shapes(page).find { |shape| placeholder(shape) == "body" })

        def shapes(page) = page.xpath("//sp")

        def placeholder(shape) = shape.at_xpath(".//ph")&.[]("type")

        # A paragraph a line; a break within one is a space in a title, so it is one here, too.
        def words(shape)
          return "" unless shape

          shape.xpath(".//p").map { |line| line.xpath(".//t|.//br").map { |run| run.name == "br" ? " " : run.text }.join.strip }
               .join("\n").strip
        end

        # @return [Hash{String=>String}] ids to paths of the parts that a part points to
        def links(path)
          folder, name = File.split(path)
          rels = part(File.join(folder, "_rels", "#{name}.rels"))
          rels.xpath("//Relationship").to_h do |link|
            [link["Id"], File.expand_path(link["Target"].to_s, "/#{folder}").delete_prefix("/")]
          end
        end

        def part(path)
          entry = @zip.find_entry(path)
          raise Unreadable, BROKEN if entry.nil? || entry.size > MOST_PART

          Nokogiri::XML(entry.get_input_stream.read, &:nonet).remove_namespaces!
        end
      end
    end
  end
end
