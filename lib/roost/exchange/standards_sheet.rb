# frozen_string_literal: true

module Roost
  module Exchange
    # A list of learning standards from a sheet with the columns code, text, subject, level and parent (the code of
    # the one it belongs to).
    module StandardsSheet
      MOST = 5000
      LIMITS = { code: 60, words: 1000, subject: 60, level: 60, parent: 60 }.freeze
      COLUMNS = { "code" => :code, "text" => :words, "subject" => :subject, "level" => :level, "parent" => :parent }.freeze
      TOO_MANY = "has more than #{MOST} standards. Split it.".freeze

      # standards:: Array of Hash with the keys of LIMITS; refused:: Array of row number and reason
      Found = Struct.new(:standards, :refused, keyword_init: true)

      # @param path [String] of a file from outside
      # @return [Core::Reading] of Found; refused in words that go on after the file's name
      def self.read(path)
        Table.read(path, headings: ["code"], most: MOST + 1).and_then do |header, *rows|
          columns = (header ? header.cells : []).map { |cell| cell.is_a?(String) ? COLUMNS[cell.strip.downcase] : nil }
          next Core::Reading.refused("needs the columns code and text in its first row.") unless (%i[code words] - columns).empty?
          next Core::Reading.refused(TOO_MANY) if rows.length > MOST

          Core::Reading.ok(sorted(rows.map { |row| [row.number, columns.zip(row.cells).to_h.slice(*LIMITS.keys)] }))
        end
      end

      # @param rows [Array<Array(Integer, Hash)>] numbers and cells by LIMITS
      # @return [Found] each code once
      def self.sorted(rows)
        found = Found.new(standards: [], refused: [])
        rows.each do |number, cells|
          next if cells.values.all? { |cell| cell.to_s.strip.empty? }

          reading = standard(cells)
          reading.ok? ? found.standards << reading.value : found.refused << [number, reading.reason]
        end
        found.standards.uniq! { |standard| standard[:code] }
        found.freeze
      end

      def self.standard(cells)
        texts = LIMITS.to_h do |name, limit|
          cell = cells[name]
          return Core::Reading.refused("there is a formula in it; put its value there") if cell.equal?(Table::FORMULA)

          [name, Core::Text.read(cell.to_s, limit: limit, what: "The #{name == :words ? "text" : name}", lines: false)]
        end
        refused = texts.values.find { |reading| !reading.ok? }
        return refused if refused
        return Core::Reading.refused("it has no code") if texts[:code].value.empty?

        # Codes stand in lists with commas between.
        values = texts.transform_values(&:value)
        Core::Reading.ok(values.merge(%i[code parent].to_h { |name| [name, values[name].tr(",;", " ").squeeze(" ")] }))
      end
      private_class_method :standard
    end
  end
end
