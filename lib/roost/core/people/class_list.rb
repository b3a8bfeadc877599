# frozen_string_literal: true

module Roost
  module Core
    # A list of students from outside: pasted, or out of a sheet. Every row is read by itself; one that
    # can't be used keeps its place and says why.
    module ClassList
      MOST = 300
      TOO_LONG = "A class has at most #{MOST} students here, and this list is much longer. Split it.".freeze
      TIME_FACTORS = { "1" => "none", "1.25" => "+25 % time", "1.5" => "+50 % time", "2" => "double time" }.freeze
      LIMITS = { shown_name: StudentName::SHOWN_LIMIT, number: 40, group: 40, notes: 1000 }.freeze
      CALLED = { shown_name: "The shown name", number: "The number", group: "The group", notes: "The notes" }.freeze

      # row::    where it stood, from 1
      # raw::    what stood there for a name
      # name::   String; nil when refused
      # given::  Hash of what else was given: some of :shown_name, :number, :group, :time_factor, :notes, :sourced_id, :family
      # reason:: why it can't be used; nil when it can
      Entry = Struct.new(:row, :raw, :name, :given, :reason, keyword_init: true)

      # One name a line; a line of a sheet that was copied may have a number after a tab.
      # @param raw [String] as typed or pasted
      # @return [Reading] of Array of Entry
      def self.paste(raw)
        return Reading.refused(TOO_LONG) if raw.to_s.length > MOST * StudentName::LIMIT

        Text.read(raw, limit: MOST * StudentName::LIMIT, what: "The list", lines: true).and_then do |text|
          lines = text.split("\n").each_with_index.map { |line, place| [place + 1, *line.split("\t", 2)] }
          read(lines.reject { |_row, name| name.to_s.strip.empty? }.map do |row, name, number|
            [row, { name: name, number: number.to_s.strip }.reject { |_, value| value == "" }]
          end)
        end
      end

      # @param rows [Array<Array(Integer, Hash)>] numbers of rows and what stands in them: :name and any
      #   of the keys of LIMITS and :time_factor
      # @return [Reading] of Array of Entry
      def self.read(rows)
        return Reading.refused("There is no name in it.") if rows.empty?
        return Reading.refused(too_many(rows.length)) if rows.length > MOST

        Reading.ok(rows.map { |row, cells| entry(row, cells) })
      end

      # What is known of a student, as a form or a row gives it.
      # @param cells [Hash] :name, or :given and :family, and any of the keys of LIMITS and :time_factor
      # @return [Reading] of Hash of what was given
      def self.fields(cells)
        named = cells.key?(:family) ? StudentName.of_parts(cells[:given], cells[:family]) : StudentName.read(cells[:name])
        read = LIMITS.slice(*cells.keys).reduce(named) do |so_far, (field, limit)|
          so_far.and_then do |fields|
            Text.read(cells[field], limit: limit, what: CALLED[field], lines: field == :notes)
                .map { |text| fields.merge(field => text) }
          end
        end
        read.and_then { |fields| timed(fields, cells) }
      end

      def self.timed(fields, cells)
        return Reading.ok(fields) unless cells.key?(:time_factor)

        factor = cells[:time_factor].to_s.strip.tr(",", ".").sub(/(?<=\.)(\d*?)0+\z/, '\1').chomp(".")
        factor = "1" if factor.empty?
        return Reading.refused("Extra time is 1, 1.25, 1.5 or 2 times the usual.") unless TIME_FACTORS.key?(factor)

        Reading.ok(fields.merge(time_factor: factor))
      end

      # @param also [Hash] what is given beside the cells
      # @return [Entry]
      def self.entry(row, cells, also = {})
        fields = fields(cells)
        given = fields.ok? ? fields.value.except(:name).reject { |_, value| value == "" }.merge(also) : {}
        raw = cells[:name] || cells.values_at(:given, :family).compact.join(" ")
        Entry.new(row: row, raw: raw.to_s[0, StudentName::LIMIT], name: fields.value&.fetch(:name), given: given,
                  reason: fields.reason).freeze
      end

      def self.too_many(many) = "A class has at most #{MOST} students here, and this list has #{many}. Split it."
      private_class_method :timed, :too_many
    end
  end
end
