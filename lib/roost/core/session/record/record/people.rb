# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Record
        # Who took part.
        #
        # seats:: [Seat] in order of joining
        # roll::  [Student] of the class it was given to; none without a class, or where nobody is to be known
        # teams:: [Team] of the session
        People = Struct.new(:seats, :roll, :teams, keyword_init: true) do
          # @param those [Array<#student_id, #name>] seats, or what is told of them
          # @return [Array] in the order of the class list, and after it by name who isn't on it
          def in_order(those)
            places = roll.each_with_index.to_h { |student, place| [student.id, place] }
            those.sort_by { |each| [places[each.student_id] || roll.length, each.name.downcase, each.name] }
          end

          # Whether somebody's name was taken away afterwards: then nobody knows who of the class was not there.
          def forgotten? = seats.any?(&:forgotten)

          # @return [Array<Student>] of the class, who have no seat
          def missing
            return [] if forgotten?

            here = seats.to_h { |seat| [seat.student_id, true] }
            roll.reject { |student| here.key?(student.id) }
          end
        end
      end
    end
  end
end
