# frozen_string_literal: true

module Roost
  module Core
    # A person on class lists, known over time.
    #
    # name, shown_name:: in the teacher's lists, and what others see
    # family::           what the name ends in, by which lists are sorted; "" of a single name
    # number::           of the school, or ""
    # group::            in the class at hand, or ""
    # time_factor::      "1", "1.25", "1.5" or "2": how much time questions give
    # notes::            only teachers see them
    # sourced_id::       by which other programs know the person (OneRoster); one of our own where none brought any
    # rostered::         whether it came from outside
    # besides::          what tells them from others of the same name in a list, or nil
    Student = Struct.new(:id, :name, :family, :shown_name, :number, :group, :time_factor, :notes, :sourced_id, :rostered,
                         :besides, keyword_init: true) do
      # First and middle names.
      def given = name.delete_suffix(family.to_s).strip

      # As a teacher reads it in a list.
      def full_name = besides ? "#{name} (#{besides})" : name
    end
  end
end
