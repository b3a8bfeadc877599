# frozen_string_literal: true

module Roost
  module Exchange
    # A class list as a sheet, both ways: a column Name, or First name and Last name; the others if wished.
    module ClassSheet
      COLUMNS = { "Name" => :name, "First name" => :given, "Last name" => :family, "Shown name" => :shown_name,
                  "Number" => :number, "Group" => :group, "Extra time" => :time_factor, "Notes" => :notes }.freeze
      WRITTEN = ["First name", "Last name", "Shown name", "Number", "Group", "Extra time", "Notes"].freeze
      HEADINGS = ["Name", "Last name"].freeze

      # @param path [String] of a file from outside
      # @return [Core::Reading] of Array of Core::ClassList::Entry; refused in words that go on after the file's name
      def self.read(path)
        Table.read(path, headings: HEADINGS, most: Core::ClassList::MOST + 1).and_then do |header, *rows|
          columns = (header ? header.cells : []).map { |cell| column(cell) }
          next Core::Reading.refused("has no column “Name” (or “First name” and “Last name”).") unless named?(columns)

          most = Core::ClassList::MOST
          next Core::Reading.refused("has more than #{most} students. Split it.") if rows.length > most
          next Core::Reading.refused("has no students below its first row.") if rows.empty?

          Core::ClassList.read(rows.map { |row| [row.number, cells(columns.zip(row.cells).to_h)] })
        end
      end

      # @param students [Array<Core::Student>]
      # @return [String] CSV
      def self.csv(students)
        fields = COLUMNS.values_at(*WRITTEN)
        CsvText.of([WRITTEN, *students.map { |student| fields.map { |field| student.public_send(field) } }])
      end

      def self.column(cell) = cell.is_a?(String) ? COLUMNS.find { |name, _| name.casecmp?(cell.strip) }&.last : nil

      def self.named?(columns) = columns.include?(:name) || (%i[given family] - columns).empty?

      # What a formula comes to isn't known: nothing stands there.
      def self.cells(row)
        row = row.reject { |name, _| name.nil? }.transform_values { |cell| cell.equal?(Table::FORMULA) ? "" : cell.to_s }
        row.key?(:name) ? row.except(:given, :family) : row
      end
      private_class_method :column, :named?, :cells
    end
  end
end
