# frozen_string_literal: true

require "commonmarker"
require "forwardable"
require_relative "../pdf_document"

module Roost
  module Exchange
    module CopySheet
      # The copy on paper. Runs in a process of its own (bin/read) and loads nothing else of the program. All sizes are in
      # points.
      class Paper
        extend Forwardable

        STYLES = { strong: "b", emph: "i", strikethrough: "strikethrough" }.freeze
        # What is beside the answer, and the rest.
        LABELS = { "given" => "You", "outcome" => "", "right" => "Right", "why" => "Why", "comment" => "Your teacher",
                   "note" => "Your notes" }.freeze
        MOST_DRAWN = 150
        LINE = "E4DAC8"
        LABEL = 84 # wide
        PICTURE = 230 # high at most
        LEAST = 60 # that has to be left on a page for something to begin there

        # @param copy [Hash{String=>Object}] as CopySheet.pdf has it
        # @return [String]
        def self.pdf(copy) = new(copy).pdf

        def initialize(copy)
          @copy = copy
          @document = PdfDocument.new(copy["title"], most_drawn: MOST_DRAWN)
        end

        # @return [String]
        def pdf
          plain(@copy["title"], size: 20, bold: true)
          quietly { plain(@copy["about"]) }
          @copy["pages"].each { |page| section(page) }
          @document.say_what_is_missing
          quietly { paper.number_pages("<page>", at: [paper.bounds.right - 50, -20], width: 50, align: :right, size: 8) }
          paper.render
        end

        private

        def_delegators :@document, :paper, :plain, :quietly, :room

        def section(page)
          room(page["pictures"].any? ? PICTURE + LEAST : LEAST)
          paper.move_down(14)
          paper.stroke_color(LINE)
          paper.stroke_horizontal_rule
          paper.move_down(12)
          plain(page["heading"], size: 13, bold: true) unless page["heading"].empty?
          page["texts"].each { |text| markdown(text) }
          page["pictures"].each { |path| picture(path) }
          page["rows"].each { |row| row(row) }
        end

        # What it is, and beside that the thing itself.
        def row(row)
          room(row["picture"] ? PICTURE : LEAST)
          paper.move_down(6)
          label = LABELS.fetch(row["is"])
          quietly { paper.float { paper.text_box(label, at: [0, paper.cursor], width: LABEL - 8, size: 9.5) } }
          paper.indent(LABEL) { beside(row) }
        end

        def beside(row)
          if row["picture"] then picture(row["picture"])
          elsif row["markdown"] then markdown(row["markdown"])
          else plain(row["text"])
          end
        end

        def picture(path)
          room(PICTURE)
          paper.move_down(4)
          paper.image(path, fit: [paper.bounds.width, PICTURE])
          paper.move_down(4)
        end

        def markdown(text)
          CommonMarker.render_doc(text, %i[DEFAULT], %i[table strikethrough autolink]).each { |block| block(block) }
        end

        # @param before [String] what stands in front, in a list
        def block(node, before = "")
          case node.type
          when :list then list(node, before)
          when :blockquote then paper.indent(14) { node.each { |inner| block(inner, before) } }
          when :code_block then plain(node.string_content.rstrip)
          when :table then node.each { |line| @document.write(line.map { |cell| inline(cell) }.join("  |  ")) }
          when :thematic_break, :html then nil
          else
            words = inline(node)
            words = "<b>#{words}</b>" if node.type == :header
            @document.write("#{before}#{words}")
            paper.move_down(4)
          end
        end

        def list(node, before)
          node.each.with_index(node.list_type == :ordered_list ? node.list_start : 0) do |item, number|
            mark = node.list_type == :ordered_list ? "#{number}. " : "• "
            paper.indent(before.empty? ? 8 : 20) { item.each { |inner| block(inner, inner.type == :list ? before : mark) } }
          end
        end

        # @return [String] with the marks Prawn knows
        def inline(node)
          case node.type
          when :text, :code then PdfDocument.escaped(node.string_content)
          when :softbreak, :linebreak then "\n"
          when :inline_html, :image then ""
          else
            inside = node.map { |each| inline(each) }.join
            style = STYLES[node.type]
            style ? "<#{style}>#{inside}</#{style}>" : inside
          end
        end
      end
    end
  end
end
