# frozen_string_literal: true

module Roost
  module Core
    module Practice
      # A practice class: made-up students. The same seed gives the same class.
      module Roster
        NAMES = ["Ada Lindqvist", "Bo Marchetti", "Cleo Okafor", "Dev Raman", "Esme Tully", "Finn Abara", "Gus Holloway",
                 "Hana Ito", "Ines Duarte", "Jude Farrow", "Kit Sorensen", "Lena Vogt", "Milo Castellan", "Nia Bexley",
                 "Otis Grange", "Pia Novak", "Quin Ashdown", "Rosa Belmonte", "Sol Everard", "Tess Orlova", "Uma Pellew",
                 "Vik Thackeray", "Wren Calloway", "Yara Haddon", "Zeb Winslow", "Anouk Feld", "Bram Osei",
                 "Cora Whitlock", "Dario Penn", "Elin Sturgess"].freeze
        MOST = NAMES.length

        # @param count [Integer] students, any number; beyond MOST names get a number
        # @return [Array<Student>]
        def self.students(count, seed:)
          (0...count).map do |place|
            name = NAMES[place % MOST]
            name = "#{name} #{(place / MOST) + 1}" if place >= MOST
            Student.new(name: name, random: Random.new(seed + (place * 7919)))
          end
        end
      end
    end
  end
end
