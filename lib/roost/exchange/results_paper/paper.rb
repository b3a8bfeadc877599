# frozen_string_literal: true

require "forwardable"
require_relative "../pdf_document"

module Roost
  module Exchange
    module ResultsPaper
      # Results on paper. Runs in a process of its own (bin/read) and loads nothing else of the program. All sizes are in points.
      class Paper
        extend Forwardable

        MOST_DRAWN = 300
        LINE = "E4DAC8"
        ROW = 16
        NAME = 120 # wide
        COLUMN = 22 # at least
        SHARE = 44
        ACROSS = 3 # pictures
        PICTURE = 150 # high
        LEAST = 70 # that has to be left on a page for something to begin there

        # @param results [Hash{String=>Object}] as ResultsPaper.pdf has it
        # @return [String]
        def self.pdf(results) = new(results).pdf

        def initialize(results)
          @results = results
          @document = PdfDocument.new(results["title"], most_drawn: MOST_DRAWN, size: results["size"])
        end

        # @return [String]
        def pdf
          bookmarked("Overview") { overview }
          bookmarked("Students by questions") { grid } if @results["grid"]
          @results["students"].each { |student| bookmarked(student["name"]) { student(student) } }
          @results["sheets"].each { |sheet| bookmarked(sheet["question"]) { sheet(sheet) } }
          @document.say_what_is_missing
          foot
          paper.render
        end

        private

        def_delegators :@document, :paper, :plain, :quietly, :room

        # On a page of its own, but for the first.
        def bookmarked(title)
          paper.start_new_page if @begun
          @begun = true
          number = paper.page_number
          yield
          (@marks ||= []) << [title, number]
        end

        def overview
          plain(@results["title"], size: 20, bold: true)
          quietly { plain(@results["about"]) }
          paper.move_down(12)
          @results["overview"].each do |label, value|
            room(LEAST)
            plain("#{label}: #{value}")
          end
        end

        def grid
          plain("Students by questions", size: 15, bold: true)
          heads = @results["grid"]["heads"]
          fit = ((paper.bounds.width - NAME - SHARE) / COLUMN).floor
          heads.each_index.each_slice(fit) { |places| block(places, last: places.last == heads.length - 1) }
          paper.move_down(8)
          heads.each_with_index { |head, at| quietly { plain("#{at + 1} #{head}", size: 8.5) } }
        end

        # As many questions as stand beside one another.
        def block(places, last:)
          paper.move_down(10)
          head(places, last)
          @results["grid"]["rows"].each do |name, signs, share|
            if paper.cursor < ROW * 2
              paper.start_new_page
              head(places, last)
            end
            row([name, *signs.values_at(*places), *(last ? [share] : [])], bold: false)
          end
        end

        def head(places, last) = row(["Student", *places.map { |at| (at + 1).to_s }, *(last ? ["Right"] : [])], bold: true)

        def row(cells, bold:)
          top = paper.cursor
          cells.each_with_index do |cell, at|
            left = at.zero? ? 0 : NAME + ((at - 1) * COLUMN)
            width = at.zero? ? NAME - 6 : COLUMN + 14
            @document.line(cell.to_s, at: [left, top - 3], width: width, size: 9, bold: bold)
          end
          paper.move_cursor_to(top - ROW)
          paper.stroke_color(LINE)
          paper.stroke_horizontal_rule
        end

        def student(student)
          plain(student["name"], size: 17, bold: true)
          quietly { plain(student["line"]) }
          student["rows"].each { |row| answer(row) }
        end

        def answer(row)
          room(LEAST)
          paper.move_down(9)
          plain("#{row["sign"]} #{row["question"]}", bold: true)
          { "given" => "", "right" => "Right: ", "comment" => "Your teacher: " }.each do |name, before|
            text = row[name].to_s
            next if text.empty?

            room(LEAST / 2)
            paper.indent(16) { name == "given" ? plain(text) : quietly { plain(before + text) } }
          end
        end

        def sheet(sheet)
          plain(sheet["question"], size: 15, bold: true)
          width = paper.bounds.width / ACROSS
          sheet["pictures"].each_slice(ACROSS) do |pictures|
            room(PICTURE + ROW)
            top = paper.cursor - 8
            pictures.each_with_index do |(path, name), at|
              paper.image(path, at: [at * width, top], fit: [width - 10, PICTURE - 20])
              @document.line(name, at: [at * width, top - PICTURE + 16], width: width - 10, size: 9)
            end
            paper.move_cursor_to(top - PICTURE - 4)
          end
        end

        def foot
          marks = @marks
          paper.outline.define { marks.each { |title, number| page(title: title, destination: number) } }
          quietly do
            paper.number_pages("<page> / <total>", at: [paper.bounds.right - 60, -20], width: 60, align: :right, size: 8)
          end
        end
      end
    end
  end
end
